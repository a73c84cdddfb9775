"""What goes in and out: Create models check input, Public models are answers. Units and limits
stand in the fields.
"""
